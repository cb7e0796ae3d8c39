-- Whose accounts a database of the product's own has, said anew at each start: two, each with a password, from this
-- machine only. The program's own account is told its rights table by table (App\Installation\DatabaseRights).
CREATE DATABASE IF NOT EXISTS @NAME@ CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
DELETE FROM mysql.global_priv WHERE User NOT IN ('mariadb.sys', '@NAME@', '@NAME@_owner');
DELETE FROM mysql.db WHERE User NOT IN ('@NAME@', '@NAME@_owner');
DELETE FROM mysql.proxies_priv;
FLUSH PRIVILEGES;
CREATE USER IF NOT EXISTS '@NAME@'@'127.0.0.1' IDENTIFIED BY '@PASSWORD@';
ALTER USER '@NAME@'@'127.0.0.1' IDENTIFIED BY '@PASSWORD@';
CREATE USER IF NOT EXISTS '@NAME@_owner'@'127.0.0.1' IDENTIFIED BY '@OWNER_PASSWORD@';
ALTER USER '@NAME@_owner'@'127.0.0.1' IDENTIFIED BY '@OWNER_PASSWORD@';
GRANT ALL PRIVILEGES ON @NAME@.* TO '@NAME@_owner'@'127.0.0.1' WITH GRANT OPTION;
