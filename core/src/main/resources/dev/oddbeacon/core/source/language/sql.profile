types sql
ignore-case
letters _$
comment --
comment /* */
string $ shape=dollar-tag
string ' ' multiline doubled escape=\
name " "
name ` `
reserved select from where insert into values update set delete join left right inner outer on as and or null is in between alter drop like order by group having union all distinct case when then else end primary key references foreign constraint unique check default cascade limit offset begin commit rollback grant revoke returning with recursive using
modifiers if not exists concurrently
statements create
declare table table
declare view view
declare index index
declare function function
declare procedure function
declare trigger function
declare type type
declare domain type
declare schema namespace
declare database namespace
declare sequence constant
structure statements
