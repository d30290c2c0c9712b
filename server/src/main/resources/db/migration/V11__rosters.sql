-- Lists of repositories that are followed; the definition is JSON.
create table if not exists roster (
    name varchar(100) character set utf8mb4 collate utf8mb4_bin not null primary key,
    definition mediumtext not null,
    read_at datetime(6),
    problem varchar(2000),
    left_out int not null default 0
) character set utf8mb4;

-- The roster that a repository came of, and since when it is not in there any more.
alter table repository
    add column if not exists roster varchar(100) character set utf8mb4 collate utf8mb4_bin,
    add column if not exists gone_since datetime(6);
