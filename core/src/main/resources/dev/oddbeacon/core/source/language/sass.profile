types sass less
letters _-
comment //
comment /* */
string " " escape=\
string ' ' escape=\
structure selectors
