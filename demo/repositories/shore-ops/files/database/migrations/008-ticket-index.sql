-- ticket index
create index ticket_by_expiry on ticket (expiry);
