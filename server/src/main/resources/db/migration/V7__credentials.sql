-- What hosts are shown to be let in. The secret is encrypted with the key in the data folder.
create table if not exists credential (
    id bigint not null auto_increment primary key,
    host varchar(300) character set utf8mb4 collate utf8mb4_bin not null,
    kind varchar(16) character set utf8mb4 collate utf8mb4_bin not null,
    user_name varchar(200) not null,
    secret varbinary(24000) not null,
    fingerprint varchar(100) not null,
    given_by varchar(64) character set utf8mb4 collate utf8mb4_bin,
    given datetime(6) not null,
    unique key (host, kind)
) character set utf8mb4;

create table if not exists credential_host_key (
    credential_id bigint not null references credential (id) on delete cascade,
    host_key varchar(2000) character set utf8mb4 collate utf8mb4_bin not null
) character set utf8mb4;
