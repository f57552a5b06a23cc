using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Formatum.Storage;

/// <summary>
/// Makes the database file ready before anything reads it: looks whether it is whole and of this program's time, and brings an older one up to date after
/// a copy of it. Whoever calls this holds the data folder.
/// </summary>
internal static class DatabaseFile
{
    /// <summary>The first sixteen bytes of each database (sqlite.org, Database File Format, 1.3).</summary>
    private static ReadOnlySpan<byte> Magic => "SQLite format 3\0"u8;

    /// <param name="file">Where the database is, or will be.</param>
    /// <param name="say">Takes what was done that whoever runs the server should know.</param>
    /// <exception cref="StartRefused">It is damaged, empty, gone, newer than this program, or cannot be written.</exception>
    public static void Prepare(string file, Action<string> say)
    {
        try
        {
            if (File.Exists(file)) CheckHeader(file);
            else Make(file);
            Update(file, say);
        }
        catch (SqliteException e)
        {
            throw new StartRefused(e.SqliteErrorCode is 11 or 26 ? Damaged(file, e.Message)
                : $"The database {file} cannot be opened: {e.Message.TrimEnd('.')}. Make room, or give this user the right to write there, and start again.",
                    e);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new StartRefused($"The database {file} cannot be opened: {e.Message} Make room, or give this user the right to write there, and start again.",
                e);
        }
    }

    private static string Damaged(string file, string why) =>
        $"The database {file} is damaged ({why.TrimEnd('.')}). Nothing was changed. Put back a backup of it, or name another folder with --data.";

    private static void CheckHeader(string file)
    {
        Span<byte> header = stackalloc byte[Magic.Length];
        using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        int read = stream.ReadAtLeast(header, header.Length, throwOnEndOfStream: false);
        if (read == 0) throw new StartRefused(Damaged(file, "the file is empty"));
        if (!header[..read].SequenceEqual(Magic)) throw new StartRefused(Damaged(file, "it is no SQLite file"));
    }

    /// <summary>A new database is made beside its place and moved there whole, so that one that is empty or half made is never ours.</summary>
    private static void Make(string file)
    {
        string folder = Path.GetDirectoryName(Path.GetFullPath(file))!;
        if (Directory.Exists(Path.Combine(folder, "pictures")))
        {
            throw new StartRefused($"There is no database {file}, though pictures of publications lie beside it. Put the database back from a backup, or " +
                "name another folder with --data.");
        }
        string part = file + ".part";
        File.Delete(part);
        using (var db = new FormatumDb(FormatumDb.OptionsFor(part)))
        {
            db.Database.Migrate();
            SqliteConnection.ClearPool((SqliteConnection)db.Database.GetDbConnection());
        }
        File.Move(part, file);
    }

    private static void Update(string file, Action<string> say)
    {
        using var db = new FormatumDb(FormatumDb.OptionsFor(file));
        db.Database.OpenConnection();
        string whole = (string)Scalar(db, "PRAGMA quick_check(1)");
        if (whole != "ok") throw new StartRefused(Damaged(file, whole));
        var known = db.Database.GetMigrations().ToHashSet();
        if (!HasHistory(db)) throw new StartRefused(Damaged(file, "it is not a database of Formatum"));
        if (db.Database.GetAppliedMigrations().FirstOrDefault(m => !known.Contains(m)) is { } newer)
        {
            throw new StartRefused($"The database {file} was written by a newer Formatum (it knows the step {newer}). Nothing was changed. Start that newer " +
                "program, or put back the copy it made before.");
        }
        db.Database.ExecuteSqlRaw("PRAGMA journal_mode=WAL");
        var pending = db.Database.GetPendingMigrations().ToList();
        if (pending.Count == 0) return;
        say($"The database is brought up to date ({string.Join(", ", pending)}). It was copied before: {CopyOf(db, file)}");
        // The folder is ours, so a lock that a killed start left behind is nobody's.
        db.Database.ExecuteSqlRaw("DROP TABLE IF EXISTS \"__EFMigrationsLock\"");
        db.Database.Migrate();
    }

    private static bool HasHistory(FormatumDb db) => (long)Scalar(db, "SELECT count(*) FROM sqlite_master WHERE name = '__EFMigrationsHistory'") == 1;

    private static object Scalar(FormatumDb db, string sql)
    {
        using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = sql;
        return command.ExecuteScalar()!;
    }

    private static string CopyOf(FormatumDb db, string file)
    {
        string folder = Path.Combine(Path.GetDirectoryName(Path.GetFullPath(file))!, "before-updates"),
            copy = Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"formatum-{DateTime.UtcNow:yyyyMMdd-HHmmss-fff}.db"));
        Directory.CreateDirectory(folder);
        db.Database.ExecuteSqlRaw("VACUUM INTO {0}", copy);
        return copy;
    }
}
