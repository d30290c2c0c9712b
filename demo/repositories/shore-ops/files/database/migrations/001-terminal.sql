-- terminal
create table terminal (
    id varchar(40) primary key,
    title varchar(80) not null
);
