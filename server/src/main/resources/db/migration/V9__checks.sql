-- What was known of the origins of repositories: when they were asked, answered and changed last; a digest of their branches
-- and tags as they were fetched, and how often in a row asking or fetching has failed.
create table if not exists repository_check (
    repository_id bigint not null primary key references repository (id) on delete cascade,
    tried datetime(6) not null,
    answered datetime(6),
    changed datetime(6) not null,
    refs varchar(64) character set ascii not null,
    failures int not null
) character set utf8mb4;
