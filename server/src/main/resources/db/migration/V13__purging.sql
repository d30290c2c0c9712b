-- Whether a job begins with nothing of what was fetched before; and what a repository takes on the disk.
alter table job add column if not exists purges boolean not null default false;
alter table repository
    add column if not exists mirror_bytes bigint not null default 0,
    add column if not exists past_bytes bigint not null default 0;
