-- Named lists of path patterns that take files out of searches.
create table if not exists exclusion_set (
    id bigint not null auto_increment primary key,
    name varchar(100) character set utf8mb4 collate utf8mb4_bin not null unique,
    description varchar(500) not null,
    patterns mediumtext not null,
    by_default boolean not null,
    version bigint not null,
    changed datetime(6) not null
) character set utf8mb4;
