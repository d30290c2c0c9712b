-- grace
alter table ticket add column grace_minutes int not null default 5;
