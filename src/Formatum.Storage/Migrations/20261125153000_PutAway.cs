using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Formatum.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PutAway : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "PutAway",
                table: "Publications",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "PutAway",
                table: "Publications");
        }
    }
}
