-- Processes that work on one index. One whose beats are not counted any more has ended, however it did. Their numbers are
-- drawn, so that none is given again after the records were put back to an earlier time.
create table if not exists process (
    id bigint not null primary key,
    duties varchar(64) not null,
    host varchar(255) character set utf8mb4 collate utf8mb4_bin not null,
    pid bigint not null,
    begun datetime(6) not null,
    beats bigint not null default 0,
    heap_used bigint not null default 0,
    heap_limit bigint not null default 0
) character set utf8mb4;

-- Who is at a job, and what only one process may do at a time.
alter table job add column if not exists process_id bigint;
create table if not exists claim (
    kind varchar(16) character set ascii not null,
    subject bigint not null,
    process_id bigint not null,
    primary key (kind, subject)
) character set utf8mb4;

-- How often files of a past were lost: whoever was reading on from them then has not read all of it.
alter table repository add column if not exists history_losses int not null default 0;

-- What one process has changed, for the others; written in the same transaction, and deleted after some minutes.
create table if not exists news (
    id bigint not null auto_increment primary key,
    process_id bigint not null,
    kind varchar(16) character set ascii not null,
    subject bigint not null,
    detail mediumtext not null
) character set utf8mb4;
