types javascript
letters _$
comment //
comment /* */
string ` ` multiline escape=\ interpolate=${
string " " escape=\
string ' ' escape=\
string / shape=regex
beginnings #
reserved in instanceof delete void with debugger yield
values this super null true false
modifiers export default
soft-modifiers async static get set accessor
extends extends
statements if else for while do switch case break continue return try catch finally throw typeof import new await
declare class class
declare function function
declare const constant
declare let variable
declare var variable
structure script lines hash-bang
