-- The host that a job fetches from, so that the next one is found without reading them all.
alter table job
    add column if not exists host varchar(255) character set utf8mb4 collate utf8mb4_bin not null default '',
    add key if not exists running (running, id);
