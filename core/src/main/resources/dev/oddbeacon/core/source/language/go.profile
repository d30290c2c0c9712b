types go
comment //
comment /* */
string ` ` multiline
string " " escape=\
string ' ' escape=\
reserved chan map range select defer go fallthrough struct interface
values nil true false iota
statements if else for switch case default break continue return goto import
declare func function
declare type type
declare const constant
declare var variable
declare package namespace
structure fields-by-type lines
