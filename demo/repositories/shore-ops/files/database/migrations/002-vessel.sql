-- vessel
create table vessel (
    name varchar(40) primary key,
    length_metres decimal(4, 1) not null,
    draught_metres decimal(3, 1) not null
);
