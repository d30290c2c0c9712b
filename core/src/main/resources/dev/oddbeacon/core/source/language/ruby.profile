types ruby
endings ?!
comment #
comment =begin =end line-start
comment __END__ shape=rest line-start
string << shape=heredoc escape=\ interpolate=#{
string % shape=percent escape=\ interpolate=#{
string / / shape=regex multiline escape=\ interpolate=#{
string " " multiline escape=\ interpolate=#{
string ' ' multiline escape=\
string ` ` multiline escape=\ interpolate=#{
reserved alias and defined in not or rescue ensure redo retry return super then undef when yield break next else elsif
values self nil true false __FILE__ __LINE__
opens begin case do
opens-first if unless while until for
closes end
declare def function
declare class class
declare module namespace
separator ::
structure ruby shifts globals commands
