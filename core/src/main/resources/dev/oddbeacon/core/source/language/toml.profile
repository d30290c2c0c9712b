types toml
letters _-
comment #
string """ """ multiline escape=\
string ''' ''' multiline
string " " escape=\
string ' '
structure lines sections
