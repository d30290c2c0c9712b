-- departure
create table departure (
    id bigint auto_increment primary key,
    route char(2) not null references route (id),
    leaves datetime not null,
    vessel varchar(40) references vessel (name)
);
