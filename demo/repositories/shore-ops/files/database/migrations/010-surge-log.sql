-- surge log
create table surge_log (
    station varchar(40) not null,
    observed datetime not null,
    residual_metres decimal(4, 2) not null,
    primary key (station, observed)
);
