"""Addresses of the stage, below those of a wall."""

from django.urls import path

from bench.stages.cut import buy, days, stock, views

app_name = "cut"
urlpatterns = [
    path("cut/", views.stage, name="stage"),
    path("saw/", views.saw, name="saw"),
    path("saw.pdf", views.saw_pdf, name="saw-pdf"),
    path("labels.pdf", views.labels_pdf, name="labels-pdf"),
    path("sheets/<int:job>/<int:n>.<slug:kind>", views.sheet_file, name="sheet-file"),
    path("working/", views.working, name="working"),
    path("measured/", views.measured, name="measured"),
    path("shopping.csv", buy.listed, {"kind": "csv"}, name="shopping"),
    path("shopping.ods", buy.listed, {"kind": "ods"}, name="shopping-ods"),
    path("shop.pdf", buy.listed, {"kind": "pdf"}, name="shop-pdf"),
    path("prices/", buy.prices, name="prices"),
    path("drawer/", buy.take_over, name="drawer"),
    path("drawer/tell/", buy.tell, name="drawer-tell"),
    path("days/", days.save, name="save-days"),
    path("finish/", days.add_finish, name="finish-add"),
    path("finish/<int:index>/drop/", days.drop_finish, name="finish-drop"),
    path("days.ics", days.ics, name="days-ics"),
    path("yard/add/", stock.add, name="stock-add"),
    path("yard/own/", stock.add_own, name="stock-own"),
    path("yard/keep/", stock.keep, name="stock-keep"),
    path("yard/take/<int:offcut>/", stock.take, name="stock-take"),
    path("yard/table/", stock.bring_table, name="stock-table"),
    path("yard/drawing/", stock.bring_drawing, name="stock-drawing"),
    path("yard/drop/<slug:what>/<int:index>/", stock.drop, name="stock-drop"),
]
