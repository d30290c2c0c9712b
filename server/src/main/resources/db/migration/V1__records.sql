create table if not exists repository (
    id bigint not null auto_increment primary key,
    name varchar(100) character set utf8mb4 collate utf8mb4_bin not null unique,
    title varchar(200) not null,
    location varchar(2000) not null,
    state varchar(16) not null,
    problem varchar(2000),
    created datetime(6) not null
) character set utf8mb4;

create table if not exists repository_label (
    repository_id bigint not null references repository (id) on delete cascade,
    position int not null,
    label varchar(100) not null,
    primary key (repository_id, position)
) character set utf8mb4;

-- Branches and tags that a repository's owner asked for; none means its HEAD.
create table if not exists wanted_branch (
    repository_id bigint not null references repository (id) on delete cascade,
    position int not null,
    name varchar(250) not null,
    primary key (repository_id, position)
) character set utf8mb4 collate utf8mb4_bin;

-- Branches as they are indexed. The snapshot file holds their paths.
create table if not exists branch (
    id bigint not null auto_increment primary key,
    repository_id bigint not null references repository (id) on delete cascade,
    name varchar(250) character set utf8mb4 collate utf8mb4_bin not null,
    searched_by_default boolean not null,
    commit_id char(40) not null,
    committed datetime(6) not null,
    indexed datetime(6) not null,
    files int not null,
    line_count bigint not null,
    byte_count bigint not null,
    skipped int not null,
    snapshot_file varchar(100) not null,
    unique (repository_id, name)
) character set utf8mb4;

-- The live segments; a file that is not listed is a stray.
create table if not exists segment (
    file varchar(100) not null primary key,
    byte_count bigint not null,
    created datetime(6) not null
) character set utf8mb4;

-- Work that is not done. A job is deleted in the transaction that records its result.
create table if not exists job (
    id bigint not null auto_increment primary key,
    repository_id bigint not null references repository (id) on delete cascade,
    running boolean not null,
    created datetime(6) not null
) character set utf8mb4;
