-- Exclusion sets of one's own, beside those that all share; and what follows a person from browser to browser.
alter table exclusion_set
    drop index if exists name,
    add column if not exists owner varchar(64) character set utf8mb4 collate utf8mb4_bin not null default '',
    add unique key if not exists owner (owner, name);

-- Encrypted, as it tells what somebody looks for.
create table if not exists desk (
    id bigint not null auto_increment primary key,
    account varchar(64) character set utf8mb4 collate utf8mb4_bin not null,
    part varchar(20) character set utf8mb4 collate utf8mb4_bin not null,
    content mediumblob not null,
    unique key (account, part)
) character set utf8mb4;
