-- People who sign in through an issuer of OpenID Connect, and tokens for some repositories.
alter table account
    add column if not exists subject varchar(400) character set utf8mb4 collate utf8mb4_bin,
    add unique key if not exists subject (subject),
    add column if not exists issuer_grant varbinary(8000),
    add column if not exists confirmed datetime(6);

create table if not exists token_repository (
    token_id bigint not null references token (id) on delete cascade,
    repository varchar(100) character set utf8mb4 collate utf8mb4_bin not null,
    primary key (token_id, repository)
) character set utf8mb4;
