-- route
create table route (
    id char(2) primary key,
    title varchar(80) not null
);
