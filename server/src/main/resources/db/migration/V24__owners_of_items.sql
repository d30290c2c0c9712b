-- Who owns the file of an item, as its repository said when it was looked at last; and how much was left of each.
alter table worklist_item add column if not exists owners varchar(500) character set utf8mb4 collate utf8mb4_bin not null default '';
alter table worklist_left
    add column if not exists owners varchar(500) character set utf8mb4 collate utf8mb4_bin not null default '',
    drop primary key,
    add primary key (search_id, day, repository, owners);
