-- old zone
delete from ticket where zone = 'estuary' and expiry < now();
