types swift
comment //
comment /* */ nested
string # shape=raw-hash
string """ """ multiline escape=\ interpolate=\(
string " " interpolate=\( escape=\
name ` `
reserved as in is inout throws rethrows where some any await try
values self Self super nil true false
modifiers public private internal fileprivate static override
soft-modifiers open package final lazy weak unowned mutating nonmutating optional required convenience dynamic indirect prefix postfix infix nonisolated async borrowing consuming
statements if else for while repeat switch default break continue return guard defer do catch throw import fallthrough
declare class class
declare struct struct
declare enum enum
declare protocol interface
soft-declare actor class
declare extension extension
declare func function
declare let constant
declare var variable
declare case constant
declare typealias type
declare associatedtype type
soft-declare macro macro
declare init constructor
declare subscript method
structure fields-by-word lines accessors
