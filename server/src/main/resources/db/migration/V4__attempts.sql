-- How often a job was begun: one that ended the service with it is not begun for ever.
alter table job add column if not exists attempts int not null default 0;
