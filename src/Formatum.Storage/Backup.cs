using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Formatum.Storage;

/// <summary>
/// A copy of a data folder: the database as it stood at one moment, and every picture it keeps, by content. Pictures that are linked where they lie elsewhere
/// are not in it. Made again to the same folder, only what is new is copied.
/// </summary>
public static class Backup
{
    private const string DatabaseName = "formatum.db", NoteName = "backup.json";

    /// <summary>Folders of pictures, fonts and profiles; what is in them is never changed, only added to.</summary>
    private static readonly string[] FileFolders = ["pictures", "demo-pictures", "fonts", "profiles"];

    /// <summary>What is written down beside a copy.</summary>
    private sealed record Note(string DataFolder, DateTimeOffset At);

    /// <summary>Copies a data folder, also while a server works on it.</summary>
    /// <returns>How many files were copied, the database among them.</returns>
    /// <exception cref="StartRefused">It could not be read or written; what was there of an older copy stays.</exception>
    public static int Make(string dataFolder, string to)
    {
        string database = Path.Combine(dataFolder, DatabaseName);
        if (!File.Exists(database)) throw new StartRefused($"There is no database in {dataFolder}. Name the data folder with --data.");
        if (Path.GetFullPath(to) == dataFolder) throw new StartRefused("A backup goes to another folder than the data it is of.");
        return Guarded($"The backup to {to}", () =>
        {
            Directory.CreateDirectory(to);
            string part = Path.Combine(to, DatabaseName + ".part");
            File.Delete(part);
            // SQLite's own backup: readers and writers go on meanwhile, and what comes out is whole (sqlite.org, Backup API).
            using (var source = new SqliteConnection($"Data Source={database};Mode=ReadWrite;Pooling=False;Default Timeout=30"))
            using (var target = new SqliteConnection($"Data Source={part};Pooling=False"))
            {
                source.Open();
                target.Open();
                source.BackupDatabase(target);
            }
            // The files after it: what it names was there before.
            int copied = FileFolders.Sum(f => CopyNew(Path.Combine(dataFolder, f), Path.Combine(to, f)));
            File.Move(part, Path.Combine(to, DatabaseName), overwrite: true);
            File.WriteAllText(Path.Combine(to, NoteName), JsonSerializer.Serialize(new Note(dataFolder, DateTimeOffset.UtcNow)));
            return copied + 1;
        });
    }

    /// <summary>Puts a copy back into a data folder without a database, wherever that lies. The caller holds the folder.</summary>
    /// <returns>How many files were copied, the database among them.</returns>
    /// <exception cref="StartRefused">There is a database already, or it is no copy, or it could not be read or written.</exception>
    public static int PutBack(string from, string dataFolder)
    {
        string database = Path.Combine(dataFolder, DatabaseName), part = database + ".part";
        if (File.Exists(database))
            throw new StartRefused($"There is a database in {dataFolder} already, and it is not replaced. Move it away first, or name " +
                "another folder with --data.");
        if (!File.Exists(Path.Combine(from, DatabaseName)) || !File.Exists(Path.Combine(from, NoteName)))
            throw new StartRefused($"{from} is no backup of Formatum: it lacks {DatabaseName} or {NoteName}.");
        return Guarded($"Putting {from} back", () =>
        {
            var note = JsonSerializer.Deserialize<Note>(File.ReadAllText(Path.Combine(from, NoteName)))!;
            int copied = FileFolders.Sum(f => CopyNew(Path.Combine(from, f), Path.Combine(dataFolder, f)));
            File.Copy(Path.Combine(from, DatabaseName), part, overwrite: true);
            if (note.DataFolder != dataFolder) MovePaths(part, note.DataFolder, dataFolder);
            File.Move(part, database);
            return copied + 1;
        });
    }

    /// <summary>Pictures are kept by their full paths: in another folder they have others.</summary>
    private static void MovePaths(string database, string from, string to)
    {
        using var connection = new SqliteConnection($"Data Source={database};Pooling=False");
        connection.Open();
        foreach (string column in new[] { "\"Parts\" SET \"Json\" = replace(\"Json\"", "\"Journal\" SET \"Changes\" = replace(\"Changes\"" })
        {
            using var command = connection.CreateCommand();
            command.CommandText = $"UPDATE {column}, @from, @to)";
            command.Parameters.AddWithValue("@from", Start(from));
            command.Parameters.AddWithValue("@to", Start(to));
            command.ExecuteNonQuery();
        }

        static string Start(string folder) => $"\"path\":{JsonSerializer.Serialize(folder + Path.DirectorySeparatorChar)[..^1]}";
    }

    private static int CopyNew(string from, string to)
    {
        if (!Directory.Exists(from)) return 0;
        int copied = 0;
        foreach (string file in Directory.EnumerateFiles(from, "*", SearchOption.AllDirectories))
        {
            string target = Path.Combine(to, Path.GetRelativePath(from, file)), part = target + ".part";
            if (File.Exists(target) && new FileInfo(target).Length == new FileInfo(file).Length) continue;
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            File.Copy(file, part, overwrite: true);
            File.SetLastWriteTimeUtc(part, File.GetLastWriteTimeUtc(file));
            File.Move(part, target, overwrite: true);
            copied++;
        }
        return copied;
    }

    private static int Guarded(string what, Func<int> work)
    {
        try
        {
            return work();
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or SqliteException or JsonException)
        {
            throw new StartRefused($"{what} did not come to its end: {e.Message} Make room or give this user the right to write there, and do it again.", e);
        }
    }
}
