using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Formatum.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Makers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>("Kind", "Journal", "INTEGER", nullable: false, defaultValue: 0);
            migrationBuilder.AddColumn<string>("Batch", "Journal", "TEXT", nullable: false, defaultValue: "");
            migrationBuilder.AddColumn<string>("Key", "Journal", "TEXT", nullable: false, defaultValue: "");
            migrationBuilder.AddColumn<string>("Maker", "Journal", "TEXT", nullable: false, defaultValue: "");
            migrationBuilder.AddColumn<string>("MakerName", "Journal", "TEXT", nullable: false, defaultValue: "");
            migrationBuilder.AddColumn<long>("Of", "Journal", "INTEGER", nullable: true);
            migrationBuilder.AddColumn<string>("Touched", "Journal", "TEXT", nullable: false, defaultValue: "");
            migrationBuilder.AddColumn<bool>("Undone", "Journal", "INTEGER", nullable: false, defaultValue: false);
            migrationBuilder.CreateIndex("IX_Journal_PublicationId_Maker_Sequence", "Journal", ["PublicationId", "Maker", "Sequence"]);
            migrationBuilder.CreateIndex("IX_Journal_PublicationId_Key", "Journal", ["PublicationId", "Key"], filter: "\"Key\" <> ''");

            // What was undone lay behind the journal's position; now each undoing is an entry of its own, behind all that was done.
            migrationBuilder.Sql("""
                INSERT INTO "Journal" ("PublicationId", "Sequence", "Words", "At", "Changes", "Kind", "Of")
                SELECT e."PublicationId", m."Last" + m."Last" - e."Sequence" + 1, 'Undo ' || e."Words", e."At", '', 1, e."Sequence"
                FROM "Journal" e JOIN "Publications" p ON p."Id" = e."PublicationId"
                JOIN (SELECT "PublicationId", MAX("Sequence") AS "Last" FROM "Journal" GROUP BY "PublicationId") m ON m."PublicationId" = e."PublicationId"
                WHERE e."Sequence" > p."JournalPosition"
                """);
            migrationBuilder.Sql("""UPDATE "Journal" SET "Undone" = 1 WHERE EXISTS (SELECT 1 FROM "Journal" u WHERE u."PublicationId" = "Journal"."PublicationId" AND u."Of" = "Journal"."Sequence")""");
            migrationBuilder.Sql("""UPDATE "Publications" SET "JournalPosition" = COALESCE((SELECT MAX("Sequence") FROM "Journal" WHERE "PublicationId" = "Publications"."Id"), 0)""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new System.NotSupportedException("The journal cannot go back to a single line.");
    }
}
