-- Who is told when something new matches a saved search, and how. The owner is an account; empty where nobody signs in.
create table if not exists watch (
    id bigint not null auto_increment primary key,
    owner varchar(64) character set utf8mb4 collate utf8mb4_bin not null,
    search_id bigint not null,
    went boolean not null,
    gathered varchar(8) character set ascii not null,
    muted_until datetime(6),
    webhook varchar(2000) not null,
    secret varbinary(500),
    feed varchar(64) character set ascii not null,
    made datetime(6) not null,
    told bigint not null,
    unique key (owner, search_id),
    unique key (feed),
    foreign key (search_id) references saved_search (id) on delete cascade
) character set utf8mb4;

-- What a watched search found when it was looked at last: by repository, JSON lines, compressed. The row of repository 0 says
-- which version of the search that was.
create table if not exists watch_state (
    search_id bigint not null,
    repository_id bigint not null,
    version bigint not null,
    results longblob not null,
    primary key (search_id, repository_id),
    foreign key (search_id) references saved_search (id) on delete cascade
) character set utf8mb4;

-- What came and what went in one repository.
create table if not exists notice (
    id bigint not null auto_increment primary key,
    search_id bigint not null,
    happened datetime(6) not null,
    repository varchar(100) character set utf8mb4 collate utf8mb4_bin not null,
    came int not null,
    went int not null,
    results longblob not null,
    key (search_id, id),
    foreign key (search_id) references saved_search (id) on delete cascade
) character set utf8mb4;

-- A message to a webhook: notices from the first to the last.
create table if not exists delivery (
    id bigint not null auto_increment primary key,
    watch_id bigint not null,
    message varchar(64) character set ascii not null,
    first_notice bigint not null,
    last_notice bigint not null,
    made datetime(6) not null,
    attempts int not null,
    next_attempt datetime(6),
    state varchar(8) character set ascii not null,
    answer varchar(500) not null,
    key (watch_id, id),
    key (next_attempt),
    foreign key (watch_id) references watch (id) on delete cascade
) character set utf8mb4;
