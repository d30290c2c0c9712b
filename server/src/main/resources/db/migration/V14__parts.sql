-- What of a branch is not searched yet, while it is read for the first time.
alter table branch add column if not exists unread_bytes bigint not null default 0;
