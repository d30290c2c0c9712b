-- Files with the past of a repository: its commits, and what they changed.
create table if not exists history (
    file varchar(100) not null primary key,
    repository_id bigint not null references repository (id) on delete cascade,
    byte_count bigint not null,
    created datetime(6) not null
) character set utf8mb4;

-- What the index has of the past: whether all that is wanted, how many commits, from when on; how many parents are missing,
-- and of how many commits the changed lines were left out.
alter table repository
    add column if not exists history_complete boolean not null default false,
    add column if not exists history_commits int not null default 0,
    add column if not exists history_oldest datetime(6),
    add column if not exists history_cut int not null default 0,
    add column if not exists history_without_lines int not null default 0,
    add column if not exists history_problem varchar(2000);
