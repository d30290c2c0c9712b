-- refund
create table refund (
    serial char(16) primary key references ticket (serial),
    reason varchar(200) not null
);
