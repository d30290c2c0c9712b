-- Searches with a name. Whose they are: of everybody (empty), of a team (team:NAME), of a person (person:NAME).
create table if not exists saved_search (
    id bigint not null auto_increment primary key,
    owner varchar(128) character set utf8mb4 collate utf8mb4_bin not null,
    name varchar(100) character set utf8mb4 collate utf8mb4_bin not null,
    description varchar(500) not null,
    subject varchar(16) character set ascii not null,
    parameters mediumtext not null,
    version bigint not null,
    changed datetime(6) not null,
    changed_by varchar(64) character set utf8mb4 collate utf8mb4_bin,
    unique key (owner, name)
) character set utf8mb4;
