-- A job can have several starting batteries: their photos are of the station of all of them.
update photo set station = 'startingBatteries' where station = 'startingBattery';
