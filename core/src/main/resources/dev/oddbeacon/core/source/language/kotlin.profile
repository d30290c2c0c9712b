types kotlin
comment //
comment /* */ nested
string """ """ multiline interpolate=${
string " " escape=\ interpolate=${
string ' ' escape=\
name ` `
reserved as in is typeof
values this super null true false
modifiers private override
soft-modifiers public protected internal abstract final open sealed data inner value inline noinline crossinline tailrec operator infix suspend external const lateinit vararg expect actual annotation companion enum out reified
soft-extends where by
statements if else for while do when try break continue return throw import
soft-declare init function
declare class class
declare interface interface
declare object object
declare fun function
declare val constant
declare var variable
declare typealias type
soft-declare constructor constructor
declare package namespace
structure kotlin lines enum-constants enum-members components-by-word accessors file-namespace
