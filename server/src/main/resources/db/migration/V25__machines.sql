-- The machines of a cluster, each with a data folder of its own, and what they share.
create table if not exists cluster (
    name varchar(60) character set ascii not null primary key,
    objects varchar(500) not null,
    secret_key_hash varchar(64) character set ascii not null
) character set utf8mb4;
create table if not exists machine (
    id bigint not null primary key,
    name varchar(60) character set ascii not null unique,
    address varchar(255) not null default '',
    joined datetime(6) not null,
    is_retired boolean not null default false,
    files int not null default 0,
    bytes bigint not null default 0,
    missing int not null default 0,
    brought bigint not null default 0,
    mirrors int not null default 0,
    mirrors_behind int not null default 0
) character set utf8mb4;
-- Of which machine a process is; 0 without a cluster.
alter table process add column if not exists machine bigint not null default 0;
-- Objects that no record names any more, and since when by the clock of the database: after a while they are deleted.
create table if not exists unneeded_object (
    name varchar(190) character set ascii not null primary key,
    since datetime(6) not null
) character set utf8mb4;
-- Why the origin of a repository did not answer.
alter table repository_check add column if not exists problem varchar(2000);
