-- What a saved search found at some time, under a name: JSON lines, compressed.
create table if not exists kept_results (
    id bigint not null auto_increment primary key,
    search_id bigint not null,
    name varchar(100) character set utf8mb4 collate utf8mb4_bin not null,
    kept datetime(6) not null,
    kept_by varchar(64) character set utf8mb4 collate utf8mb4_bin,
    results longblob not null,
    unique key (search_id, name),
    foreign key (search_id) references saved_search (id) on delete cascade
) character set utf8mb4;
