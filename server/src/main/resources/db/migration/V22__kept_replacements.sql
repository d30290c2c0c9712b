-- What stands instead of what a saved search finds, as JSON; null for a search that only finds.
alter table saved_search add column if not exists replacement mediumtext;

-- Exclusion sets that a repository keeps (repository:NAME) have the file there that they come from.
alter table exclusion_set modify column owner varchar(128) character set utf8mb4 collate utf8mb4_bin not null default '';
alter table exclusion_set add column if not exists source varchar(2000) not null default '';
