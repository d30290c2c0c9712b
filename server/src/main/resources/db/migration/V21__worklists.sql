-- A saved search whose results are ticked off.
create table if not exists worklist (
    search_id bigint not null primary key,
    made datetime(6) not null,
    made_by varchar(64) character set utf8mb4 collate utf8mb4_bin,
    foreign key (search_id) references saved_search (id) on delete cascade
) character set utf8mb4;

-- Its items. The state is open, done, stays (somebody says why) or gone (it is not found any more).
create table if not exists worklist_item (
    id bigint not null auto_increment primary key,
    search_id bigint not null,
    repository varchar(100) character set utf8mb4 collate utf8mb4_bin not null,
    result mediumtext not null,
    state varchar(8) character set ascii not null,
    claimed_by varchar(64) character set utf8mb4 collate utf8mb4_bin,
    why varchar(500) not null,
    changed datetime(6) not null,
    changed_by varchar(64) character set utf8mb4 collate utf8mb4_bin,
    version bigint not null,
    key (search_id, repository),
    key (search_id, changed),
    foreign key (search_id) references worklist (search_id) on delete cascade
) character set utf8mb4;

-- How much was left at the end of a day, by repository.
create table if not exists worklist_left (
    search_id bigint not null,
    day date not null,
    repository varchar(100) character set utf8mb4 collate utf8mb4_bin not null,
    items int not null,
    primary key (search_id, day, repository),
    foreign key (search_id) references worklist (search_id) on delete cascade
) character set utf8mb4;
