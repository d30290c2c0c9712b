-- The commit that the history of a repository began with: forks of one origin have the same.
alter table repository add column if not exists first_commit char(40) character set ascii;
