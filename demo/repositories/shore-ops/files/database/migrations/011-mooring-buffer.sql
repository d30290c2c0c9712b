-- mooring buffer
alter table berth add column mooring_buffer_minutes int not null default 5;
