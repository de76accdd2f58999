-- The application's own account reads and writes rows, owns nothing, and only reads the trail. After every migrate.
REVOKE ALL ON DATABASE kybernet FROM PUBLIC;
GRANT CONNECT ON DATABASE kybernet TO kybernet_app;
REVOKE CREATE ON SCHEMA public FROM PUBLIC;
GRANT USAGE ON SCHEMA public TO kybernet_app;
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO kybernet_app;
GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO kybernet_app;
GRANT SELECT ON note_versions TO kybernet_app;
REVOKE INSERT, UPDATE, DELETE ON audit_entries, migrations FROM kybernet_app;
