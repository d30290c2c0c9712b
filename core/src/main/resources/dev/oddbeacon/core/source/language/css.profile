types css
letters _-
comment /* */
string " " escape=\
string ' ' escape=\
structure selectors
