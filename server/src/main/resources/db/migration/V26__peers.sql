-- Where the other machines reach a machine, host:port; empty before it listens there.
alter table machine add column if not exists peer_address varchar(255) not null default '';
