-- berth
create table berth (
    id char(3) primary key,
    terminal varchar(40) not null references terminal (id),
    sill_depth_metres decimal(3, 1) not null
);
