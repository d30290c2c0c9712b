-- People who sign in. A name is never given again: what it stands for in the records of changes stays.
create table if not exists account (
    id bigint not null auto_increment primary key,
    name varchar(64) character set utf8mb4 collate utf8mb4_bin not null unique,
    display_name varchar(200) not null,
    role varchar(16) character set utf8mb4 collate utf8mb4_bin not null,
    password varchar(255) character set utf8mb4 collate utf8mb4_bin,
    created datetime(6) not null,
    ended datetime(6)
) character set utf8mb4;

create table if not exists team (
    id bigint not null auto_increment primary key,
    name varchar(64) character set utf8mb4 collate utf8mb4_bin not null unique,
    title varchar(200) not null
) character set utf8mb4;

create table if not exists team_member (
    team_id bigint not null references team (id) on delete cascade,
    account varchar(64) character set utf8mb4 collate utf8mb4_bin not null,
    primary key (team_id, account)
) character set utf8mb4;

-- What programs sign in with. The token itself is shown once and kept nowhere.
create table if not exists token (
    id bigint not null auto_increment primary key,
    account varchar(64) character set utf8mb4 collate utf8mb4_bin not null,
    name varchar(100) not null,
    hash char(64) character set utf8mb4 collate utf8mb4_bin not null unique,
    role varchar(16) character set utf8mb4 collate utf8mb4_bin not null,
    created datetime(6) not null,
    ends datetime(6) not null,
    last_used datetime(6)
) character set utf8mb4;

-- Who may see a repository: everybody, team:NAME, person:NAME. Nobody who is not listed.
create table if not exists repository_viewer (
    repository_id bigint not null references repository (id) on delete cascade,
    viewer varchar(80) character set utf8mb4 collate utf8mb4_bin not null,
    primary key (repository_id, viewer)
) character set utf8mb4;

-- What was done, by whom and from where. Only added to.
create table if not exists record_of_change (
    id bigint not null auto_increment primary key,
    happened datetime(6) not null,
    account varchar(64) character set utf8mb4 collate utf8mb4_bin,
    token varchar(100),
    address varchar(64) not null,
    action varchar(40) character set utf8mb4 collate utf8mb4_bin not null,
    subject varchar(300) not null,
    key (happened)
) character set utf8mb4;

-- Sessions of people, as the library that keeps them wants it.
create table if not exists SPRING_SESSION (
    primary_id char(36) not null,
    session_id char(36) not null,
    creation_time bigint not null,
    last_access_time bigint not null,
    max_inactive_interval int not null,
    expiry_time bigint not null,
    principal_name varchar(100),
    constraint spring_session_pk primary key (primary_id)
) engine = innodb row_format = dynamic;

create unique index if not exists spring_session_ix1 on SPRING_SESSION (session_id);
create index if not exists spring_session_ix2 on SPRING_SESSION (expiry_time);
create index if not exists spring_session_ix3 on SPRING_SESSION (principal_name);

create table if not exists SPRING_SESSION_ATTRIBUTES (
    session_primary_id char(36) not null,
    attribute_name varchar(200) not null,
    attribute_bytes blob not null,
    constraint SPRING_SESSION_ATTRIBUTES_pk primary key (session_primary_id, attribute_name),
    constraint SPRING_SESSION_ATTRIBUTES_fk foreign key (session_primary_id) references SPRING_SESSION (primary_id) on delete cascade
) engine = innodb row_format = dynamic;
