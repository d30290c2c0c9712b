types shell
comment # word-start
string <<- shape=heredoc
string << shape=heredoc
string $' ' multiline escape=\
string " " multiline escape=\ interpolate=$(
string ' ' multiline
string ` ` multiline escape=\
statements if then else elif fi for while until do done case esac in select time
modifiers export readonly declare typeset alias local
declare function function
structure shell
