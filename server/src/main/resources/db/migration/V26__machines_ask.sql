-- Where the other machines reach a machine, host:port; empty before it listens there.
alter table machine add column if not exists peer_address varchar(255) not null default '';
-- How often a process has told the others of a change: written by each change, so that it fails if the process is struck off.
alter table process add column if not exists told bigint not null default 0;
-- Each machine has a mirror of its own, so that it is claimed within the machine; 0 for what is claimed on all of them.
alter table claim add column if not exists machine bigint not null default 0;
alter table claim drop primary key, add primary key (kind, subject, machine);
