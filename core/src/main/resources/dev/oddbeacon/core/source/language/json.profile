types json
comment //
comment /* */
string " " escape=\
string ' ' escape=\
values null true false
structure keys
