-- Watches are told by mail as well.
alter table watch add column if not exists mail varchar(320) not null default '';
alter table delivery add column if not exists channel varchar(8) character set ascii not null default 'webhook';
