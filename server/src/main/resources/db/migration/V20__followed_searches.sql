-- Saved searches that a repository keeps (repository:NAME) have the file there that they come from.
alter table saved_search add column if not exists source varchar(2000) not null default '';
