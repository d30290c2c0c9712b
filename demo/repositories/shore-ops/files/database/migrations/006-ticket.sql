-- ticket
create table ticket (
    serial char(16) primary key,
    zone varchar(10) not null,
    expiry datetime not null,
    sold datetime not null
);
