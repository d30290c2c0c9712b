types cpp
comment //
comment /* */
string " shape=raw-delimited prefix=R,LR,uR,UR,u8R
string " " escape=\ prefix=L,u,U,u8
string ' ' escape=\ prefix=L,u,U,u8
string " " escape=\
string ' ' escape=\
reserved auto bool char char8_t char16_t char32_t wchar_t double float int long short signed unsigned void sizeof alignof decltype typeid typename requires concept co_await co_return co_yield static_assert dynamic_cast static_cast const_cast reinterpret_cast noexcept throw typeof __typeof__ asm __asm__ operator
values this nullptr true false
modifiers const volatile static extern inline register restrict typedef thread_local mutable virtual explicit friend constexpr consteval constinit template public private protected __inline __attribute__ __declspec alignas __extension__ __restrict
soft-modifiers final override
statements using if else for while do switch case default break continue return goto try catch new delete
declare struct struct
declare class class
declare union union
declare enum enum
declare namespace namespace
separator ::
structure declarators directives digit-quotes
