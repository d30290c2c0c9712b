-- Where the other machines reach a machine, host:port; empty before it listens there.
alter table machine add column if not exists peer_address varchar(255) not null default '';
-- How often a process has told the others of a change: written by each change, so that it fails if the process is struck off.
alter table process add column if not exists told bigint not null default 0;
