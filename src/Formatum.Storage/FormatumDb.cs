using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Formatum.Storage;

/// <summary>The database: publications, their parts as they are, and the journal of how they came to be so.</summary>
public sealed class FormatumDb(DbContextOptions<FormatumDb> options) : DbContext(options)
{
    public DbSet<PublicationRow> Publications => Set<PublicationRow>();
    public DbSet<PartRow> Parts => Set<PartRow>();
    public DbSet<JournalRow> Journal => Set<JournalRow>();
    public DbSet<PreferenceRow> Preferences => Set<PreferenceRow>();

    /// <remarks>Whether the migrations lead to the model is held by a test, and not asked at every start.</remarks>
    public static DbContextOptions<FormatumDb> OptionsFor(string file) => new DbContextOptionsBuilder<FormatumDb>()
        .UseSqlite($"Data Source={file};Default Timeout=30")
        .ConfigureWarnings(w => w.Ignore(RelationalEventId.PendingModelChangesWarning)).Options;

    /// <summary>Whether something failed because the file could not be written: SQLITE_FULL, SQLITE_IOERR, SQLITE_READONLY or SQLITE_CANTOPEN (sqlite.org,
    /// Result and Error Codes).</summary>
    internal static bool CannotWrite(Exception e) => (e as SqliteException ?? e.InnerException as SqliteException)?.SqliteErrorCode is 13 or 10 or 8 or 14;

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<PartRow>(part =>
        {
            part.HasKey(p => new { p.PublicationId, p.Kind, p.PartId });
            part.HasOne<PublicationRow>().WithMany().HasForeignKey(p => p.PublicationId);
        });
        modelBuilder.Entity<PreferenceRow>().HasKey(p => p.Name);
        modelBuilder.Entity<JournalRow>(entry =>
        {
            entry.HasKey(e => new { e.PublicationId, e.Sequence });
            entry.HasOne<PublicationRow>().WithMany().HasForeignKey(e => e.PublicationId);
            entry.HasIndex(e => new { e.PublicationId, e.Maker, e.Sequence });
            entry.HasIndex(e => new { e.PublicationId, e.Key }).HasFilter("\"Key\" <> ''");
        });
    }

    /// <summary>Lets the migration tool make the context without the application.</summary>
    private sealed class DesignTimeFactory : IDesignTimeDbContextFactory<FormatumDb>
    {
        public FormatumDb CreateDbContext(string[] args) => new(OptionsFor("design.db"));
    }
}
