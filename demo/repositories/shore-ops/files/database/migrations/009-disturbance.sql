-- disturbance
create table disturbance (
    id bigint auto_increment primary key,
    route char(2) not null references route (id),
    kind varchar(20) not null,
    began datetime not null,
    ended datetime
);
