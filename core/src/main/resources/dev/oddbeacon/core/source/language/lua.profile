types lua
comment --[ shape=long-bracket
comment --
string [[ shape=long-bracket
string [= shape=long-bracket
string " " escape=\
string ' ' escape=\
reserved and break else elseif for goto in not or return then while
values nil true false
opens if do repeat
closes end until
declare function function
declare local variable
structure lua blank-escapes
