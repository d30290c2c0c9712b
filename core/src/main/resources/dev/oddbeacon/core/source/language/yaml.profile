types yaml
letters _-
comment # word-start
string | shape=block
string > shape=block
string " " multiline escape=\ word-start
string ' ' multiline doubled word-start
values null true false
structure indented-keys
