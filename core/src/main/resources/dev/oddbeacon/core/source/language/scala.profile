types scala
letters _$
comment //
comment /* */ nested
string """ """ multiline prefix=* interpolate=${
string """ """ multiline
string " " escape=\ prefix=* interpolate=${
string " " escape=\
string ' ' shape=character
name ` `
reserved yield match macro
values this super null true false
modifiers private protected override abstract final sealed implicit lazy
soft-modifiers inline open transparent opaque infix
extends extends with derives
statements if else for while do try catch finally return throw import export new
declare class class
declare trait trait
declare object object
declare def function
declare val constant
declare var variable
declare type type
soft-declare given constant
declare case constant
soft-declare enum enum
soft-declare extension extension
declare package namespace
structure scala
