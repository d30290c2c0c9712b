-- mooring buffer ten
-- After the near misses at Thornsea.
alter table berth alter column mooring_buffer_minutes set default 10;
update berth set mooring_buffer_minutes = 10 where mooring_buffer_minutes < 10;
