using System.Data.Common;
using Formatum.Core.Publications;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Formatum.Storage;

/// <summary>A part as it was read.</summary>
/// <param name="Part">The part.</param>
/// <param name="Revision">When it was last changed.</param>
/// <param name="IsNew">Whether it has no row of its own yet: it came of another, of an older version.</param>
internal readonly record struct ReadPart(Part Part, long Revision, bool IsNew);

/// <summary>
/// Reads and writes parts with plain statements: there may be tens of thousands, and making an entity of each would take most of the time.
/// </summary>
internal static class PartTable
{
    private const string All = """SELECT "Kind", "Revision", "Json" FROM "Parts" WHERE "PublicationId" = @publication""";

    /// <summary>So many parts are read on one core; more on all of them.</summary>
    private const int Few = 200;

    /// <summary>All parts of a publication as they are, within the transaction under way.</summary>
    public static async Task<IReadOnlyList<ReadPart>> ReadAsync(FormatumDb db, int publicationId)
    {
        await using var command = Command(db, All, publicationId);
        var rows = new List<(PartKind Kind, long Revision, string Json)>();
        await using (var reader = await command.ExecuteReaderAsync())
        {
            while (reader.Read()) rows.Add(((PartKind)reader.GetInt32(0), reader.GetInt64(1), reader.GetString(2)));
        }
        var parts = new IEnumerable<ReadPart>[rows.Count];
        void Read(int i) => parts[i] = [.. PartJson.Read(rows[i].Kind, rows[i].Json).Select((p, nth) => new ReadPart(p, rows[i].Revision, nth > 0))];
        if (rows.Count > Few) Parallel.For(0, rows.Count, Read);
        else for (int i = 0; i < rows.Count; i++) Read(i);
        return [.. parts.SelectMany(p => p)];
    }

    /// <summary>Writes parts that came of others of an older version, and those, within the transaction under way.</summary>
    public static async Task UpgradeAsync(FormatumDb db, int publicationId)
    {
        var parts = await ReadAsync(db, publicationId);
        for (int i = 1; i < parts.Count; i++)
        {
            if (!parts[i].IsNew) continue;
            // Each stands behind the one it came of.
            await WriteAsync(db, publicationId, parts[i].Revision, new([new(parts[i - 1].Part.Key, null, parts[i - 1].Part), new(parts[i].Part.Key, null,
                parts[i].Part)]));
        }
    }

    private const string Put = """
        INSERT INTO "Parts" ("PublicationId", "Kind", "PartId", "Revision", "Json") VALUES (@publication, @kind, @part, @revision, @json)
        ON CONFLICT ("PublicationId", "Kind", "PartId") DO UPDATE SET "Revision" = excluded."Revision", "Json" = excluded."Json"
        """;

    private const string Remove = """DELETE FROM "Parts" WHERE "PublicationId" = @publication AND "Kind" = @kind AND "PartId" = @part""";

    /// <summary>Writes the changes within the transaction under way.</summary>
    public static async Task WriteAsync(FormatumDb db, int publicationId, long revision, Changes changes)
    {
        await using var put = Command(db, Put, publicationId, "@kind", "@part", "@json");
        await using var remove = Command(db, Remove, publicationId, "@kind", "@part");
        Add(put, "@revision", revision);
        foreach (var change in changes.Items)
        {
            var command = change.After is null ? remove : put;
            command.Parameters["@kind"].Value = (int)change.Key.Kind;
            command.Parameters["@part"].Value = change.Key.Id;
            if (change.After is { } part) command.Parameters["@json"].Value = PartJson.Write(part);
            await command.ExecuteNonQueryAsync();
        }
    }

    private static DbCommand Command(FormatumDb db, string sql, int publicationId, params string[] parameters)
    {
        var command = db.Database.GetDbConnection().CreateCommand();
        command.Transaction = db.Database.CurrentTransaction!.GetDbTransaction();
        command.CommandText = sql;
        Add(command, "@publication", publicationId);
        foreach (string name in parameters) Add(command, name, null);
        return command;
    }

    private static void Add(DbCommand command, string name, object? value)
    {
        var parameter = command.CreateParameter();
        parameter.ParameterName = name;
        parameter.Value = value;
        command.Parameters.Add(parameter);
    }
}
