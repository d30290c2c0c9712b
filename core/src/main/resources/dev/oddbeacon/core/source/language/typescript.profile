types typescript
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
soft-modifiers async static get set accessor public private protected readonly abstract declare override
extends extends implements
statements if else for while do switch case break continue return try catch finally throw typeof import new await
declare class class
declare function function
declare const constant
declare let variable
declare var variable
declare enum enum
soft-declare interface interface
soft-declare type type
soft-declare namespace namespace
soft-declare module namespace
structure script lines hash-bang enum-constants
