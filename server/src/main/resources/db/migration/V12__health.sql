-- What the service was like, minute by minute for a day, then by quarters of an hour; the figures are JSON.
create table if not exists health_reading (
    taken datetime(3) not null primary key,
    seconds int not null,
    figures text not null
) character set utf8mb4;
