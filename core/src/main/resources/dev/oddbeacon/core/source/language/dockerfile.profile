types dockerfile
comment # line-first
string " " escape=\
string ' '
structure lines stages continued
